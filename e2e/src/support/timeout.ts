// Processes are started and real servers are waited for; conditions end the tests, this only ends a hang.
jest.setTimeout(480_000);
