"""Intake: complaint, plate, first look, van list, earlier visits."""
