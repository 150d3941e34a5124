"""Tools of the workshop: pictures of the screens, and the browser they share with the journeys."""
