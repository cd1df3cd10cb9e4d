"""The pages of the papers, each as plain data made of blocks."""
