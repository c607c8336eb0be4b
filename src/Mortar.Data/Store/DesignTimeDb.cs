using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using NodaTime;

namespace Mortar.Data.Store;

/// <summary>Lets the migrations tool make a context; not used when Mortar runs.</summary>
internal sealed class DesignTimeDb : IDesignTimeDbContextFactory<MortarDb>
{
    public MortarDb CreateDbContext(string[] args)
    {
        var options = new DbContextOptionsBuilder<MortarDb>();
        StoreSetup.Configure(options, "design-time.db");
        return new MortarDb(options.Options, SystemClock.Instance, new ChangeSignal(), new WriteTurn());
    }
}
