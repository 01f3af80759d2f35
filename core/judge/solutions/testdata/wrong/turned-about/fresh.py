class Solution:
    def turnedAbout(self, camp):  # what it makes is lost
        if not camp:
            return None
        made = TreeNode(camp.val, self.turnedAbout(camp.right), self.turnedAbout(camp.left))
        camp = made
        return made
