"""Records kept while processes are killed, disks fill up and requests are odd."""
