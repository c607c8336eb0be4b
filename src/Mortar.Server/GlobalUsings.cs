// The hosting packages have an EventId of their own, for log entries.
global using EventId = Mortar.Core.Words.EventId;
