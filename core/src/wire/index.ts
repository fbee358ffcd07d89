export * from './sacn';
export * from './artnet';
export * from './pcap';
export * from './serial';
export * from './osc';
