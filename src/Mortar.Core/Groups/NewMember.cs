using Mortar.Core.Words;

namespace Mortar.Core.Groups;

/// <summary>Somebody to be added to a group, as they were given.</summary>
/// <param name="Id">The id of the new person, made by the client so that sending twice adds once.</param>
/// <param name="Name">What to call them.</param>
/// <param name="Address">Their mail address; <c>null</c> or empty for a name alone.</param>
public sealed record NewMember(PersonId Id, string? Name, string? Address)
{
    /// <summary>Makes a name and an address safe and checks them.</summary>
    public static Checked<NamedMember> Check(NewMember given)
    {
        var (name, problems) = PersonName.Check(given.Name);
        Address? address = null;
        return string.IsNullOrWhiteSpace(given.Address) || Words.Address.TryParse(given.Address, out address)
            ? new(new NamedMember(given.Id, name, address), problems)
            : new(
                new NamedMember(given.Id, name, Address: null),
                [.. problems, new FieldProblem("address", Words.Address.Problem(given.Address))]
            );
    }

    /// <summary>The same for all who are to be added at once: what is wrong is named with its place in the list.</summary>
    public static Checked<IReadOnlyList<NamedMember>> Check(IReadOnlyList<NewMember> people)
    {
        var checks = people.Take(PeopleList.Most).Select(Check).ToList();
        return new Checked<IReadOnlyList<NamedMember>>(
            [.. checks.Select(check => check.Value)],
            [
                .. checks.SelectMany(
                    (check, index) =>
                        check.Problems.Select(problem => problem with { Path = $"people[{index}].{problem.Path}" })
                ),
            ]
        ).And(
            people.Count is 0 or > PeopleList.Most
                ?
                [
                    new FieldProblem(
                        "people",
                        FormattableString.Invariant($"Add 1 to {PeopleList.Most} people at a time.")
                    ),
                ]
                : []
        );
    }
}

/// <summary>Somebody to be added to a group, checked.</summary>
/// <param name="Id">Their id, if they are new.</param>
/// <param name="Name">What to call them.</param>
/// <param name="Address">Their mail address; <c>null</c> for a name alone.</param>
public sealed record NamedMember(PersonId Id, string Name, Address? Address);
