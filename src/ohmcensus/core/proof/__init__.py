"""Proof after repair, in its order: what has to be shown, what was, and what still blocks signing off.

``criteria``    what a machine has to show, by its protection class, with limits and where they come from
``proofs``      the same with what was measured or seen since the last change, judged with the tester's error
``blocking``    everything that keeps a repaired machine from going out as safe
"""

from ohmcensus.core.proof.criteria import Criterion, ShownBy, criteria, current_limit_a
from ohmcensus.core.proof.sign_off import blocking, refuse_sign_off
from ohmcensus.core.proof.state import Proof, is_asked, proofs, refuse_proof, since_change

__all__ = [
    "Criterion",
    "Proof",
    "ShownBy",
    "blocking",
    "criteria",
    "current_limit_a",
    "is_asked",
    "proofs",
    "refuse_proof",
    "refuse_sign_off",
    "since_change",
]
