class BeaconCache
  def initialize(room)
    @room = room
    @kept = {}
  end

  def get(beacon)
    reading = @kept.delete(beacon)
    reading && @kept[beacon] = reading
  end

  def put(beacon, reading)
    @kept.delete(beacon)
    @kept[beacon] = reading
    @kept.shift if @kept.size > @room
  end

  def size = @kept.size
end
