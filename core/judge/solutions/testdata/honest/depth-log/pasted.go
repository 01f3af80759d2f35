// It returns its own slice, which changes later.
package main

type DepthLog struct{ list []int }

func Constructor() DepthLog { return DepthLog{} }

func (d *DepthLog) Add(depth int)     { d.list = append(d.list, depth) }
func (d *DepthLog) All() []int        { return d.list }
func (d *DepthLog) Fill(depths []int) { d.list = append(d.list, depths...) }
func (d *DepthLog) Summary() string   { return fmt.Sprint(d.list) }
func (d *DepthLog) Restore(text string) error {
	for _, part := range strings.Fields(strings.Trim(text, "[]")) {
		n, err := strconv.Atoi(part)
		if err != nil {
			return err
		}
		d.list = append(d.list, n)
	}
	return nil
}
