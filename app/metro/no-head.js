// Stands in for what Expo Router has to write into the head of a page; Hovlix writes its title itself.
exports.Head = { Provider: ({ children }) => children };
