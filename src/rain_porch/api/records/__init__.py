"""What is asked of the records: files coming in, imports, conclusions, one listing."""
