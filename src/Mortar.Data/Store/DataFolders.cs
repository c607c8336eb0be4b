namespace Mortar.Data.Store;

/// <summary>What lies beside the store in the data directory and has to outlive the machine.</summary>
public static class DataFolders
{
    /// <summary>The keys by which cookies are signed.</summary>
    public const string Keys = "keys";

    /// <summary>Mails, where no real server takes them.</summary>
    public const string PostRoom = "post-room";
}
