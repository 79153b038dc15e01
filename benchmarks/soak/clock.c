/* A clock that the soak sets: preloaded into the application's processes, it moves their time of day by so
   many seconds as the file DOLMETSCH_CLOCK says. What is measured with the monotonic clock goes on as it is.
   The record store keeps its own, as one on another machine does. (libfaketime breaks Python's sleep.) */
#define _GNU_SOURCE
#include <errno.h>
#include <fcntl.h>
#include <stdlib.h>
#include <sys/syscall.h>
#include <sys/time.h>
#include <time.h>
#include <unistd.h>

static long moved(void) {
  const char *path = getenv("DOLMETSCH_CLOCK");
  char said[32] = {0};
  int before = errno;
  if (!path) return 0;
  int file = open(path, O_RDONLY | O_CLOEXEC);
  if (file >= 0) {
    if (read(file, said, sizeof said - 1) < 0) said[0] = 0;
    close(file);
  }
  /* whoever asks for the time does not expect this to change */
  errno = before;
  return atol(said);
}

int clock_gettime(clockid_t which, struct timespec *at) {
  int status = (int)syscall(SYS_clock_gettime, which, at);
  if (!status && which == CLOCK_REALTIME) at->tv_sec += moved();
  return status;
}

int gettimeofday(struct timeval *restrict at, void *restrict zone) {
  struct timespec now;
  (void)zone;
  if (clock_gettime(CLOCK_REALTIME, &now)) return -1;
  at->tv_sec = now.tv_sec;
  at->tv_usec = now.tv_nsec / 1000;
  return 0;
}

time_t time(time_t *at) {
  struct timespec now;
  clock_gettime(CLOCK_REALTIME, &now);
  if (at) *at = now.tv_sec;
  return now.tv_sec;
}
