"""Taking the job: what the customer says, what was tried and found before, and the data plate."""

from ohmcensus.core.intake.complaint import Alteration, Complaint, Trial, asks_shock
from ohmcensus.core.intake.plate import DataPlate, plate_of, plate_remarks

__all__ = ["Alteration", "Complaint", "DataPlate", "Trial", "asks_shock", "plate_of", "plate_remarks"]
