function flattened(log, join) { return JSON.stringify(log); }
