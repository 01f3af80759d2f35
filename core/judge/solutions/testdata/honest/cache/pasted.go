package main

type BeaconCache struct {
	room  int
	order []int
	kept  map[int]string
}

func Constructor(room int) BeaconCache {
	return BeaconCache{room: room, kept: map[int]string{}}
}

func (this *BeaconCache) use(beacon int) {
	if i := slices.Index(this.order, beacon); i >= 0 {
		this.order = slices.Delete(this.order, i, i+1)
	}
	this.order = append(this.order, beacon)
}

func (this *BeaconCache) Get(beacon int) *string {
	reading, ok := this.kept[beacon]
	if !ok {
		return nil
	}
	this.use(beacon)
	return &reading
}

func (this *BeaconCache) Put(beacon int, reading string) {
	this.use(beacon)
	this.kept[beacon] = reading
	if len(this.order) > this.room {
		delete(this.kept, this.order[0])
		this.order = this.order[1:]
	}
}

func (this *BeaconCache) Size() int { return len(this.order) }
