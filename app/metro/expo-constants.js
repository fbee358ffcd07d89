// Stands in for what a phone app knows of its own build; app.json has no settings for Expo Router.
export default { expoConfig: {} };
