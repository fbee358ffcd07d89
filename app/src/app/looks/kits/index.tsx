export { KitsPlace as default } from '../../../features/looks/kits/KitsPlace';
