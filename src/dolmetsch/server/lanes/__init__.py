"""Who lies where until when: fridges, smokers, chambers and freezers along the days."""
