def flattened(log, join):
    out = {}
    def walk(v, path):
        if isinstance(v, dict):
            for k, w in v.items(): walk(w, path + [k])
        elif isinstance(v, list):
            for i, w in enumerate(v): walk(w, path + [str(i)])
        else:
            out[join.join(path)] = v
    walk(log, [])
    return out
