fn ration(food: i32, team: i32) -> i32 {
    if team <= 0 { panic!("nobody to feed"); }
    food / team
}
