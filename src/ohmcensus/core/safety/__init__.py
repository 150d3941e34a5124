"""What may be measured now, and what must not."""

from ohmcensus.core.safety.state import SafetyState, refuse_unsafe

__all__ = ["SafetyState", "refuse_unsafe"]
