"""What is asked of the desk: homes, clients, searches, the market, letters, work that waits."""
