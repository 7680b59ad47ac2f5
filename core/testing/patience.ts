// For a busy machine: what is right ends at once, however long a spec would wait for it.
jasmine.DEFAULT_TIMEOUT_INTERVAL = 240_000;
