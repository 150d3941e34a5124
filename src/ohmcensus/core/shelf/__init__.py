"""Parts that a job wants, and the shelf of spares: whether a piece fits, and whether it is known to be good.

``WantedPart``    a part for the exact type and variant, where it can be had, and how its order stands
``Spare``         a piece on the shelf: where it comes from, its mark, its acceptance readings
``misfits``       why a piece is not the one that is wanted
``acceptance``    what its readings say, by the same judgement as on a machine
``whereabouts``   in which machine a piece sits now, from the changes that were noted
"""

from ohmcensus.core.shelf.acceptance import Acceptance, Soundness, acceptance, acceptance_tests
from ohmcensus.core.shelf.fits import misfits
from ohmcensus.core.shelf.price import parse_price
from ohmcensus.core.shelf.spare import AcceptanceReading, Mark, Origin, Spare
from ohmcensus.core.shelf.wanted import OrderState, PartOffer, WantedPart
from ohmcensus.core.shelf.whereabouts import Fitting, Whereabouts, whereabouts

__all__ = [
    "Acceptance",
    "AcceptanceReading",
    "Fitting",
    "Mark",
    "OrderState",
    "Origin",
    "PartOffer",
    "Soundness",
    "Spare",
    "WantedPart",
    "Whereabouts",
    "acceptance",
    "acceptance_tests",
    "misfits",
    "parse_price",
    "whereabouts",
]
