"""What is asked of one workup."""
