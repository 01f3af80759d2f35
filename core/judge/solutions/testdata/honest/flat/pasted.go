package main

func flattened(log any, join string) map[string]any {
	out := map[string]any{}
	var walk func(v any, path []string)
	walk = func(v any, path []string) {
		switch v := v.(type) {
		case map[string]any:
			for k, w := range v {
				walk(w, append(path[:len(path):len(path)], k))
			}
		case []any:
			for i, w := range v {
				walk(w, append(path[:len(path):len(path)], strconv.Itoa(i)))
			}
		default:
			out[strings.Join(path, join)] = v
		}
	}
	walk(log, nil)
	return out
}
