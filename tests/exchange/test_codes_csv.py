"""Tables of meanings as CSV."""

from __future__ import annotations

import pytest

from ohmcensus.core.codes import Meaning
from ohmcensus.core.errors import InputError
from ohmcensus.exchange.codes_csv import read_meanings


def test_a_table_is_read() -> None:
    rows = (
        Meaning(code="9", words='Water, "cold"', suspects={"valve": 0.5, "level": 1.0}),
        Meaning(code="6/9", words="Größe µ Ω"),
    )
    body = 'code,words,suspects\r\n9,"Water, ""cold""",valve:0.5;level:1\r\n6/9,Größe µ Ω,\r\n'
    assert read_meanings(body.encode()) == rows
    assert read_meanings("\ufeffCode, Words\n9,x\n\n".encode()) == (Meaning(code="9", words="x"),)


@pytest.mark.parametrize(
    ("body", "says"),
    [
        (b"", "the columns are missing"),
        (b"number;text\n", "the first line must be code,words,suspects"),
        (b"code,words,colour\n", "the first line must be"),
        (b"code,words\n1,ok\n2,W\xe4rme\n", "line 3: not in UTF-8"),
        (b"code,words\n5,\n", "line 2: words"),
        (b"code,words,suspects\n5,x,heater:much\n", "line 2: 'much' is not a weight"),
        (b"code,words,suspects\n5,x,heater:7\n", "line 2: suspects"),
        (b'code,words\n5,"open\n', "line 1: no CSV"),
        (b"code,words\n" + b"1,x\n" * 1002, "more than 1000 rows"),
        (b"code,words\n" + b"x" * 300_000, "the table has 300 kB"),
    ],
)
def test_a_bad_table_is_refused_with_its_line(body: bytes, says: str) -> None:
    with pytest.raises(InputError, match=says):
        read_meanings(body)
