"""Parts that a job wants, and the shelf of spares: whether a piece fits, and whether it is known to be good."""

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
