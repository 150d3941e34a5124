"""A job: the sheet plus everything observed, and what follows from its log alone."""
