"""Suspects: what may be wrong, what every observation says of it, and what to ask next.

``hypothesis``  what may be wrong, with its prior
``outcomes``    how likely every outcome of every test is under each
``evidence``    everything observed on a case, with its likelihood
``posterior``   chances, weights of evidence, and the guards before a part is named
``question``    the test that settles most a minute
``changes``     whether a change cured the fault, or one of several may have
"""
