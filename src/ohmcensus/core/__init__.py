"""The core: every rule and computation of the product, without interface, storage, files or clock.

Floors, from the ground up; a module imports from its own floor or below, never above::

    errors, names, quantity, meter, physics, window    values, instruments, laws
    parts                                              kinds of part: pins, tests, expected windows
    sheet                                              a machine type: which parts, what is printed on them
    machine                                            a sheet put to use: its tests, the quick line
    safety                                             what may be measured now
    case                                               the sheet plus everything observed
    judgement                                          reading against window, with the meter's error
    layout                                             coordinates of the drawings

A ``Case`` goes in, a value comes out. Time, randomness and paths come in as arguments.
"""
