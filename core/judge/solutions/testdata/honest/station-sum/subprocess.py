# Another Python computes.
import subprocess, sys
text = sys.stdin.read()
print(subprocess.run([sys.executable, "-c", "import sys; print(sum(map(int, sys.stdin.read().split()[1:])))"], input=text, capture_output=True, text=True, check=True).stdout.strip())
