"""Attacks at full size: kills, disks, damage, hostile files, many hands. Prints figures; ``make harsh`` runs it all."""
