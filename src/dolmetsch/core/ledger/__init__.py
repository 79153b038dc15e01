"""A batch's records, and cost carried along its weighings, exactly."""
