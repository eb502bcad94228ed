// A real browser on a busy machine takes its time; what counts is that the state comes.
jasmine.DEFAULT_TIMEOUT_INTERVAL = 90_000;
