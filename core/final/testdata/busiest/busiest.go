package main

func busiest(names []string, k int) []string {
	m := map[string]int{}
	for _, s := range names {
		m[s]++
	}
	var r []string
	for s := range m {
		r = append(r, s)
	}
	sort.Slice(r, func(i, j int) bool { return m[r[i]] > m[r[j]] })
	return r[:k]
}
