using Microsoft.EntityFrameworkCore;
using Mortar.Core.Devices;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Devices;

/// <summary>A device and its key, which is told this once.</summary>
public sealed record MadeDevice(DeviceRow Row, string? Key);

/// <summary>Makes and ends devices: each is its owner's alone, and the log says nothing of it.</summary>
public sealed class DeviceCommands(MortarDb db, PublicLinks links)
{
    /// <summary>How far apart uses are that are written down.</summary>
    private static readonly Duration BetweenUses = Duration.FromHours(1);

    /// <summary>Makes a device where there is none of that id, and gives it another name otherwise; sent twice, it is made once.</summary>
    public async Task<Outcome<MadeDevice>> Put(
        PersonId owner,
        Guid id,
        Device wish,
        CancellationToken cancellationToken
    )
    {
        var device = wish.Check();
        if (device.WhyNot is { } unfit)
        {
            return unfit;
        }

        Outcome<MadeDevice>? made = null;
        await db.WriteUnlogged(
            async () =>
            {
                if (await db.Devices.FirstOrDefaultAsync(row => row.Id == id, cancellationToken) is { } known)
                {
                    if (known.Owner != owner || known.EndedAt is not null)
                    {
                        made = new Refusal.NotThere("device");
                        return;
                    }

                    known.Name = device.Value.Name;
                    made = new MadeDevice(known, null);
                    return;
                }

                if (Device.WhyNotMore(await Mine(owner).CountAsync(cancellationToken)) is { } tooMany)
                {
                    made = tooMany;
                    return;
                }

                made = Made(owner, id, device.Value);
                if ((await db.People.SingleAsync(row => row.Id == owner, cancellationToken)).Address is { } address)
                {
                    db.Post(
                        AccountLetters.DeviceMade(device.Value.Name, device.Value.Writes, links.Forgotten),
                        address
                    );
                }
            },
            cancellationToken
        );
        return made!;
    }

    /// <summary>Ends one: its key opens nothing from this moment on.</summary>
    public async Task<Outcome<MadeDevice>> End(PersonId owner, Guid id, CancellationToken cancellationToken)
    {
        Outcome<MadeDevice> ended = new Refusal.NotThere("device");
        await db.WriteUnlogged(
            async () =>
            {
                if (await Mine(owner).FirstOrDefaultAsync(row => row.Id == id, cancellationToken) is { } row)
                {
                    row.EndedAt = db.Now;
                    ended = new MadeDevice(row, null);
                }
            },
            cancellationToken
        );
        return ended;
    }

    /// <summary>Takes note that a key was used and by which program; to the hour, so that one that asks every second writes nothing.</summary>
    public async Task See(DeviceRow device, string program, CancellationToken cancellationToken)
    {
        var now = db.Now;
        program = PlainText.Shorten(PlainText.OneLine(program), DeviceRow.LongestProgram);
        if (device.SeenAt is { } before && now - before < BetweenUses && now >= before)
        {
            return;
        }

        await db.Tidy(
            () =>
                db
                    .Devices.Where(row => row.Id == device.Id)
                    .ExecuteUpdateAsync(
                        set => set.SetProperty(row => row.SeenAt, now).SetProperty(row => row.Program, program),
                        cancellationToken
                    ),
            cancellationToken
        );
        (device.SeenAt, device.Program) = (now, program);
    }

    /// <summary>The devices of somebody that are there.</summary>
    public IQueryable<DeviceRow> Mine(PersonId owner) =>
        db.Devices.Where(row => row.Owner == owner && row.EndedAt == null);

    private MadeDevice Made(PersonId owner, Guid id, Device device)
    {
        var key = DeviceKey.New();
        var row = new DeviceRow
        {
            Id = id,
            Owner = owner,
            Name = device.Name,
            Role = device.Role,
            Hash = DeviceKey.HashOf(key),
            MadeAt = db.Now,
        };
        db.Devices.Add(row);
        return new MadeDevice(row, key);
    }
}
