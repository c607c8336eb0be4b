namespace Mortar.Data.Store;

/// <summary>Mortar does not start on this store, and left it as it was. The message says why and what to do.</summary>
public sealed class StartRefusedException(string message) : Exception(message);
