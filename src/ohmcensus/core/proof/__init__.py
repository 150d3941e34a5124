"""Proof after repair, in its order: what has to be shown, what was, and what still blocks signing off.

``criteria``    what a machine has to show, by its protection class, with limits and where they come from
``proofs``      the same with what was measured or seen since the last change, judged with the tester's error
``blocking``    everything that keeps a repaired machine from going out as safe
"""

from ohmcensus.core.proof.criteria import Asked, Criterion, ShownBy, asked, criteria
from ohmcensus.core.proof.sign_off import blocking, is_outlets, refuse_sign_off
from ohmcensus.core.proof.state import Proof, is_asked, proofs, refuse_proof, since_change, taken_proof

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
]
