"""records.db: one function per question."""
