/** Rules of the house that the linter has none for. */

const injectedClock = {
  create: (context) => ({
    NewExpression(node) {
      if (node.callee.type === 'Identifier' && node.callee.name === 'Date' && node.arguments.length === 0)
        context.report({ node, message: 'Ask the injected clock.' });
    },
  }),
};

const waitsForNothing = {
  create(context) {
    const hold = (node) => {
      if (node.async) context.report({ node, message: 'Core and contract wait for nothing.' });
    };
    return { FunctionDeclaration: hold, FunctionExpression: hold, ArrowFunctionExpression: hold };
  },
};

export default {
  meta: { name: 'house' },
  rules: { 'injected-clock': injectedClock, 'waits-for-nothing': waitsForNothing },
};
