"""What is drawn on the papers: map, rail, charts."""
