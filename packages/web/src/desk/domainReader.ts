export { readDomain } from '@wanderon/core';
