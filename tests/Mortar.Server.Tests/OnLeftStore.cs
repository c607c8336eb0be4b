using Microsoft.Data.Sqlite;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>Tests on a data directory of their own, furnished as the demo is, in which no Mortar runs at first.</summary>
/// <param name="deep">Whether they are of those that take minutes.</param>
public abstract class OnLeftStore(bool deep) : IAsyncLifetime
{
    private protected string Data { get; private set; } = string.Empty;

    private protected LeftStore Left => new(Data);

    public async ValueTask InitializeAsync()
    {
        Assert.SkipUnless(Deep.Is || !deep, "Of the deep tests.");
        Data = await TestMortar.Left();
    }

    public virtual ValueTask DisposeAsync()
    {
        SqliteConnection.ClearAllPools();
        if (Directory.Exists(Data)) // one that came up takes it along
        {
            Directory.Delete(Data, recursive: true);
        }

        GC.SuppressFinalize(this);
        return ValueTask.CompletedTask;
    }
}
