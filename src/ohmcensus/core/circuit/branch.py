"""The one primitive of a circuit."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Branch:
    """A resistance in series with an inductance, or with a capacitance, between two pins.

    Parameters
    ----------
    id
        Name, unlike any other's.
    a, b
        The two pins.
    ohm
        Resistance; at least 10 mΩ for what stands for a contact, or the matrix loses its digits.
    henry
        Inductance.
    farad
        Capacitance, None for a branch that passes direct current.
    forward_volts
        Of a junction from a to b: what it drops once it conducts; its resistance is what it shows before.
        None for everything else. The nodal equations know the resistance only.
    """

    id: str
    a: str
    b: str
    ohm: float
    henry: float = 0.0
    farad: float | None = None
    forward_volts: float | None = None

    def admittance_s(self, omega: float) -> complex:
        """Return Y = 1/Z at an angular frequency in rad/s; at 0 a capacitor passes nothing.

        Z = R + jωL, or R + 1/(jωC).
        """
        if self.farad is not None:
            return 0.0 if omega == 0 else 1 / (self.ohm + 1 / (1j * omega * self.farad))
        return 1 / (self.ohm + 1j * omega * self.henry)
