"""Machine sheets: list, copy, edit, check, meanings of codes, kinds of part."""
