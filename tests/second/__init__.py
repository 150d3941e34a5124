"""SAFETY's tables written out a second time, the long way: no walk, no marks, the whole log looked at for each answer.

It knows two machines (fl7-u and fl9-t, their figures by hand), two devices and some eighty acts; what it says of them,
which of them it refuses and by which row, is said without any of the core's rules, and each row that decides is
counted.
"""
