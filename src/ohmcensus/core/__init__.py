"""The core: every rule and computation of the product, without interface, storage, files or clock.

A ``Case`` goes in, a value comes out. Time, randomness and paths come in as arguments. Which room stands above which
is a contract of import-linter (pyproject.toml, *The floors of the core*); docs/house.md draws it.
"""
