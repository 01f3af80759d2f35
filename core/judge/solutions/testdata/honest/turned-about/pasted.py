class Solution:
    def turnedAbout(self, camp: Optional[TreeNode]) -> None:
        open_ = deque([camp] if camp else [])
        while open_:
            post = open_.popleft()
            post.left, post.right = post.right, post.left
            open_.extend(child for child in (post.left, post.right) if child)
