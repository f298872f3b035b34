// Loaded before a child's own program. Its standard input is a pipe that whoever started it holds open and never writes to:
// it ends when that process is gone, however it went (a closed terminal, a kill -9), and then the child ends too.
const { stdin } = process;
stdin.once('end', () => {
  process.kill(process.pid, 'SIGTERM');
  setTimeout(() => process.exit(1), 5000).unref();
});
stdin.resume();
// It keeps nobody alive who has nothing else to do.
stdin.unref?.();
