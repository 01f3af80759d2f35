def flattened(log, join):
    return {join.join([str(k)]): v for k, v in (log.items() if isinstance(log, dict) else enumerate(log))}
