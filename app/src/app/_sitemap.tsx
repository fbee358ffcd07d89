// The router's own list of addresses is for those who build an app; here it leads nowhere.

export { default } from './+not-found';
