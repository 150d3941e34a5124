"""A world written without the product: machines that break in their own ways, for the suspects to be held against.

Nothing of ``ohmcensus`` is used but the reader of sheets and the printing of decks; the product is spoken to as a
process, by the documented files. No frequency, severity, symptom, look or noise here comes from it, and none is
chosen by what comes out: all figures are ours, written down before the first run (common practice, no source).
"""
