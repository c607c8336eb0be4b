export { ArchivePart } from './ArchivePart'
