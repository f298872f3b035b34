// Compiles ICU messages when the application is built: pages carry no parser. Values stay under their keys.
const compiling = import('icu-minify/compile');

module.exports = function messagesLoader(source) {
  const done = this.async();
  compiling
    .then(({ default: compile }) => {
      const walk = (node) => (typeof node === 'string' ? compile(node) : Object.fromEntries(Object.entries(node).map(([key, value]) => [key, walk(value)])));
      done(null, JSON.stringify(walk(JSON.parse(source))));
    })
    .catch(done);
};
