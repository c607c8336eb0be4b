using Mortar.Server.Tests;
using Mortar.Server.Tests.Features;
using Xunit.Sdk;
using Xunit.v3;

[assembly: Xunit.TestCollectionOrderer(typeof(LongestFirst))]

namespace Mortar.Server.Tests;

/// <summary>Begins with what takes longest, which would otherwise run alone at the end while a processor rests.</summary>
internal sealed class LongestFirst : ITestCollectionOrderer
{
    private static readonly string[] Longest =
    [
        typeof(LadderTests).FullName!,
        typeof(PersonRoutesTests).FullName!,
        typeof(KillTests).FullName!,
    ];

    public IReadOnlyCollection<TTestCollection> OrderTestCollections<TTestCollection>(
        IReadOnlyCollection<TTestCollection> testCollections
    )
        where TTestCollection : ITestCollection =>
        [
            .. testCollections.OrderBy(one =>
                !Longest.Any(name => one.TestCollectionDisplayName.Contains(name, StringComparison.Ordinal))
            ),
        ];
}
