var turnedAbout = function (camp) { // turns some of it back
  if (!camp) return;
  [camp.left, camp.right] = [camp.right, camp.left];
  turnedAbout(camp.left);
  turnedAbout(camp.left);
};
