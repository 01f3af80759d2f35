def watch_rows(hours):
    return (hours[i:i + 2] for i in range(0, len(hours), 2))
