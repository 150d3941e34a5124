"""The core: every rule and computation of the product, without interface, storage, files or clock.

Floors, from the ground up; a module imports from its own floor or below, never above::

    errors, names, quantity, symptom, meter, physics, window    values, instruments, laws
    circuit                   branches, nets, nodal solve; knows no washer
    parts                     kinds of part: pins, tests, expected windows
    codes                     lamp schemes, entry sequences, test cycles
    sheet                     a machine type: which parts, what is printed on them, how it tells codes
    machine                   a sheet put to use: netlist, predicted readings, its tests, the quick line
    event, intake             what happened on a job; complaint and plate
    case                      the sheet plus everything observed
    judgement                 reading against window, with the meter's error
    safety, first_look        what is proved, open and refused; the look outside the machine
    van_list, stages          what to take along; how the stages stand and what is next
    layout                    coordinates of the drawings

A ``Case`` goes in, a value comes out. Time, randomness and paths come in as arguments.
"""
