"""Proof after repair, in its order: what has to be shown, what was, and what still blocks signing off."""

from ohmcensus.core.proof.criteria import Asked, Criterion, ShownBy, asked, criteria
from ohmcensus.core.proof.sign_off import blocking, is_outlets, refuse_sign_off
from ohmcensus.core.proof.state import Proof, is_asked, proofs, refuse_proof, since_change, taken_proof, ways

__all__ = [
    "Asked",
    "Criterion",
    "Proof",
    "ShownBy",
    "asked",
    "blocking",
    "criteria",
    "is_asked",
    "is_outlets",
    "proofs",
    "refuse_proof",
    "refuse_sign_off",
    "since_change",
    "taken_proof",
    "ways",
]
