def ration(food, team)
  raise ArgumentError, 'nobody to feed' if team <= 0

  food / team
end
