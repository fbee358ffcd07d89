// Real sockets and threads on a shared machine, which at times loses its processors for up to a second: what fails is
// run once more, and what went wrong the first time is printed all the same.
jest.retryTimes(1, { logErrorsBeforeRetry: true });
