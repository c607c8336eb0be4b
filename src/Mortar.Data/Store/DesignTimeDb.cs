using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using NodaTime;

namespace Mortar.Data.Store;

/// <summary>A context without a store: for the migrations tool, and to name the migrations there are.</summary>
internal sealed class DesignTimeDb : IDesignTimeDbContextFactory<MortarDb>
{
    public MortarDb CreateDbContext(string[] args)
    {
        var options = new DbContextOptionsBuilder<MortarDb>();
        StoreSetup.Configure(options, "design-time.db");
        return new MortarDb(options.Options, SystemClock.Instance, new ChangeSignal(), new WriteTurn());
    }
}
