"""porch.db: what an agent has decided and keeps, one function per question."""
