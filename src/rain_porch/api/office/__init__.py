"""What is asked of the desk: homes, clients, searches, the market, bulletins, work that waits."""
